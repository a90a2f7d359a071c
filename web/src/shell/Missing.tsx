import { Link } from 'react-router';

/** A page that is not there. */
export function Missing({ what = 'There is nothing at this address.' }: { what?: string }) {
  return (
    <main className="h-full flex flex-col items-start justify-center pl-24 gap-4 font-serif text-[22px]">
      <h1 className="font-normal">{what}</h1>
      <Link to="/" className="textpress font-sans text-[13px]">
        Go to the library
      </Link>
    </main>
  );
}
