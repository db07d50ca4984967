/** DataFlash, the open self-describing log of multirotor controllers, binary and as text. */
package yarrek.formats.dataflash;
