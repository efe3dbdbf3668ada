CREATE TABLE IF NOT EXISTS `ear_tallies` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`kind` varchar(10) NOT NULL,
	`taken_at` bigint NOT NULL,
	`right_answers` int NOT NULL,
	`asked` int NOT NULL,
	`mistakes` longtext NOT NULL,
	CONSTRAINT `ear_tallies_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `patterns` ADD COLUMN IF NOT EXISTS `brackets` longtext;--> statement-breakpoint
ALTER TABLE `ear_tallies` ADD FOREIGN KEY IF NOT EXISTS `ear_tallies_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `ear_tallies_class` ON `ear_tallies` (`class_id`,`taken_at`);
