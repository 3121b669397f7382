export default function NotFound() {
  return (
    <main className="grid h-full place-content-center gap-3 text-center">
      <h1 className="font-name text-2xl">There is nothing at this address.</h1>
      <a className="text-petrol underline" href="/take">
        Go to Take
      </a>
    </main>
  );
}
