/** Standard gravity, m/s². */
export const GRAVITY = 9.80665;
