/** What comes to people by itself: the calendar to subscribe to, the daily digest by mail, the stand-in mailbox. */
package yarrek.app.reminders;
