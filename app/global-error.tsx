"use client";

/** The last page there is: the frame of all pages broke off, so it brings its own. */
export default function GlobalError() {
  return (
    <html lang="en">
      <body style={{ font: "20px system-ui", margin: "15vh 8vw" }}>
        <h1>Iridel broke off</h1>
        <p>What you typed is kept on this tablet.</p>
        {/* eslint-disable-next-line @next/next/no-html-link-for-pages */}
        <a href="/">Open it again</a>
      </body>
    </html>
  );
}
