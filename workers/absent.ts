/** Stands in for Node's own modules in the browser, where HarfBuzz never calls them. */
export {};
