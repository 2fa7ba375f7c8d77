DROP TABLE issued_plan;
DROP TABLE plan_draft;
