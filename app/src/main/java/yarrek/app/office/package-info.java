/** The office: logins and roles, API tokens, the operator's own particulars. */
package yarrek.app.office;
