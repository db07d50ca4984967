-- the rules that approvals make are made from their terms when a plan is judged; they are no longer kept as rules of the house
delete from own_rule where bound_to = 'JOB' and layer = 'APPROVAL' and rule_id regexp '^APP-[0-9A-F]{8}-(CEILING|C[0-9]+|AREA|HOURS|AIRCRAFT|PILOT)$';
