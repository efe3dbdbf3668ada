CREATE TABLE IF NOT EXISTS `hearings` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`taken_at` bigint NOT NULL,
	`title` varchar(200) NOT NULL,
	`pattern_text` text NOT NULL,
	`bpm` double NOT NULL,
	`heard_from` varchar(10) NOT NULL,
	`heard` longtext NOT NULL,
	CONSTRAINT `hearings_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `hearings` ADD FOREIGN KEY IF NOT EXISTS `hearings_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `hearings_class` ON `hearings` (`class_id`,`taken_at`);
