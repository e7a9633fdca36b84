/** While a page is fetched. */
export default function Loading() {
  return (
    <p role="status" className="p-8 text-lg text-faint">
      Fetching …
    </p>
  );
}
