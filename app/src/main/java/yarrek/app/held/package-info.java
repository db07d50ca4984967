/** What is held in memory for as long as its stamp says that it still holds, on every node. */
package yarrek.app.held;
