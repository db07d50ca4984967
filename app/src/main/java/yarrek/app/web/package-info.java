/** What every page shares: who is looking, forms with typed input, showing of figures, errors. */
@org.springframework.modulith.ApplicationModule(type = org.springframework.modulith.ApplicationModule.Type.OPEN)
package yarrek.app.web;
