CREATE TABLE IF NOT EXISTS `class_shares` (
	`class_id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`role` varchar(10) NOT NULL,
	CONSTRAINT `class_shares_class_id_teacher_id_pk` PRIMARY KEY(`class_id`,`teacher_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `practice_weeks` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`starts` varchar(10) NOT NULL,
	`plan` longtext NOT NULL,
	CONSTRAINT `practice_weeks_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `terms` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`title` varchar(60) NOT NULL,
	`from_at` bigint NOT NULL,
	`until_at` bigint NOT NULL,
	`names` longtext NOT NULL,
	`records` longtext NOT NULL,
	CONSTRAINT `terms_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `term_from` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `rejudgings` ADD COLUMN IF NOT EXISTS `judged_before` longtext;--> statement-breakpoint
ALTER TABLE `sessions` ADD COLUMN IF NOT EXISTS `started_at` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `sessions` ADD COLUMN IF NOT EXISTS `device` varchar(60) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `teachers` ADD COLUMN IF NOT EXISTS `administrator` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `teachers` ADD COLUMN IF NOT EXISTS `closed` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `class_shares` ADD FOREIGN KEY IF NOT EXISTS `class_shares_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `class_shares` ADD FOREIGN KEY IF NOT EXISTS `class_shares_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `practice_weeks` ADD FOREIGN KEY IF NOT EXISTS `practice_weeks_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `terms` ADD FOREIGN KEY IF NOT EXISTS `terms_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `practice_weeks_class` ON `practice_weeks` (`class_id`,`starts`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `terms_class` ON `terms` (`class_id`,`until_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `takes_version` ON `takes` (`result_version`);