/** ULog, the open binary log of multirotor controllers: versions 0 to 2, by the format definitions that each file carries. */
package yarrek.formats.ulog;
