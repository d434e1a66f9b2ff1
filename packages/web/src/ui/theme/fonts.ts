export const TEXT_FONT = "'Barlow', system-ui, sans-serif";
export const LABEL_FONT = "'Barlow Condensed', 'Barlow', system-ui, sans-serif";
