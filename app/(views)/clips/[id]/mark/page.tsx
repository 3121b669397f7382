/** The address; the shell shows its view. */
export default function Page() {
  return null;
}
