/** Calendars in iCalendar (RFC 5545), written. */
package yarrek.formats.calendar;
