-- beside the day (1), the hour: jobs that are flown now are judged again as it passes
insert into passing_of_time values (2, '');
