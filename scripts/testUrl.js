// In place of a file whose address is asked for: the simulated page fetches none.
export default 'about:blank';
