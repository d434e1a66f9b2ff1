import styled from 'styled-components';

/** A page that is no desk. */
export const Page = styled.main`
  max-width: 1180px;
  min-height: 100%;
  margin: 0 auto;
  padding: 28px 32px 64px;
`;

/** Its name, and what can be done on all of it. */
export const PageHead = styled.header`
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 20px;
`;
