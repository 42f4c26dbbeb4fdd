/** A file as text, put into the program by the bundler. */
declare module '*?raw' {
  const text: string;
  export default text;
}
