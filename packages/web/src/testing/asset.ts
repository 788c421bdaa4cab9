/** Stands in for a file that is only looked at. */
export default '';
