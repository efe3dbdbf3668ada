CREATE TABLE IF NOT EXISTS `known_devices` (
	`token_hash` varchar(64) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`used_at` bigint NOT NULL,
	CONSTRAINT `known_devices_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `known_devices` ADD CONSTRAINT `known_devices_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `known_devices_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `known_devices_teacher` ON `known_devices` (`teacher_id`);