/** The channel of PostgreSQL's NOTIFY on which processes tell each other what has changed. */
export const NEWS_CHANNEL = 'estrella_news';
