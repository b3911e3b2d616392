/** Whether the page asks its visitor to sign in: a field for a password that can be seen. */
export function asksForPassword(): boolean {
  return [...document.querySelectorAll<HTMLElement>('input[type="password" i]')].some(
    (field) => field.checkVisibility() && field.getBoundingClientRect().width > 0,
  );
}
