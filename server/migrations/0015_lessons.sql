CREATE TABLE IF NOT EXISTS `lessons` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`lesson` longtext NOT NULL,
	`day` varchar(10) NOT NULL DEFAULT '',
	`changed_at` bigint NOT NULL,
	CONSTRAINT `lessons_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `term_plans` (
	`class_id` varchar(36) NOT NULL,
	`plan` longtext NOT NULL,
	CONSTRAINT `term_plans_class_id` PRIMARY KEY(`class_id`)
);
--> statement-breakpoint
ALTER TABLE `lessons` ADD FOREIGN KEY IF NOT EXISTS `lessons_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `term_plans` ADD FOREIGN KEY IF NOT EXISTS `term_plans_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `lessons_class` ON `lessons` (`class_id`,`day`);
