/** Conventional Commits, `type(scope): imperative`, in at most 72 characters. */
export default {
  extends: ['@commitlint/config-conventional'],
  rules: { 'header-max-length': [2, 'always', 72], 'body-max-line-length': [2, 'always', 100] },
};
