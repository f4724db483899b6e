/** The title of a page: what it shows, then the product's name. It stands in the page and changes with it; one that the framework streams in beside it is away for a moment at every change of page. */
export function Title({ of }: { of?: string }) {
  return <title>{of ? `${of} · Mellow Plumb` : "Mellow Plumb"}</title>;
}
