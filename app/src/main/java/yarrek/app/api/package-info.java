/** The HTTP API under /api/v1: what the pages compute, in JSON, with a bearer token; problems as RFC 9457. */
package yarrek.app.api;
