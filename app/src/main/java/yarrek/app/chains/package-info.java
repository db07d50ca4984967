/** What a job needs granted: the chain in time, whether papers cover it, the applications, and the desks they go to. */
package yarrek.app.chains;
