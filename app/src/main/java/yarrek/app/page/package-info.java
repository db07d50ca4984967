/** What every page shares: who is looking and what is open to whom, showing of figures, trouble told in words. */
package yarrek.app.page;
