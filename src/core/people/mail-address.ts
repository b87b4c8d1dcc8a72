/** Whether a text reads like an email address: somebody at a host that has parts. */
export function isMailAddress(text: string): boolean {
  if (text.length > 120 || /[\s<>]/.test(text)) return false;
  const [somebody, host, ...more] = text.split("@");
  return !!somebody && !!host && more.length === 0 && host.includes(".") && host.split(".").every(Boolean);
}
