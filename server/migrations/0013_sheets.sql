CREATE TABLE IF NOT EXISTS `sheets` (
	`id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`sheet` longtext NOT NULL,
	`changed_at` bigint NOT NULL,
	CONSTRAINT `sheets_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `sheets` ADD FOREIGN KEY IF NOT EXISTS `sheets_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `sheets_teacher` ON `sheets` (`teacher_id`,`changed_at`);
