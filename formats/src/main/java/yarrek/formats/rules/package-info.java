/** Rule packs as YAML: a strict reader; an unknown word is an error that names the rule. */
package yarrek.formats.rules;
