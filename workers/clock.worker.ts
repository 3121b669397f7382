/** Strikes every half second, also while its page is out of sight. */
setInterval(() => postMessage(null), 500);
