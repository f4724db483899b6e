import "server-only";

const TITLE = "Not just now · Mellow Plumb";

/** What whoever opens a page is told while the database is away. @param nonce with which this answer may bring a style. */
const pageOf = (nonce: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${TITLE}</title>
<style nonce="${nonce}">
body { margin: 0; padding: 2rem; background: #f6f2eb; color: #211e26; font: 1.0625rem/1.5 sans-serif; }
main { max-width: 36rem; margin: 0 auto; }
h1 { font-size: 1.5rem; }
a { display: inline-block; min-height: 2.75rem; line-height: 2.75rem; padding: 0 1rem; border: 1px solid; border-radius: 3px; color: inherit; font-weight: 600; text-decoration: none; }
</style>
</head>
<body>
<main>
<h1>The database does not answer just now.</h1>
<p>It is started again by itself as a rule, within seconds. What you entered is kept: on the server what was saved, on this device what was not.</p>
<p><a href="">Try again</a></p>
</main>
</body>
</html>
`;

/** The answer to a page that cannot be made: a device that keeps the program shows what it has of the job instead. */
export const awayPage = (nonce: string, policy: string): Response =>
  new Response(pageOf(nonce), {
    status: 503,
    headers: {
      "content-type": "text/html; charset=utf-8",
      "content-security-policy": policy,
      "cache-control": "no-store",
      "retry-after": "2",
    },
  });
