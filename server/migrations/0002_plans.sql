CREATE TABLE IF NOT EXISTS `plans` (
	`id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`title` varchar(60) NOT NULL,
	`plan` longtext NOT NULL,
	CONSTRAINT `plans_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `plans` ADD CONSTRAINT `plans_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `plans_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;