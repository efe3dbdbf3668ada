CREATE TABLE IF NOT EXISTS `children` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	CONSTRAINT `children_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `classes` (
	`id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`ages` varchar(10) NOT NULL,
	`school` varchar(20) NOT NULL,
	`rests` varchar(10),
	`revision` int NOT NULL DEFAULT 0,
	CONSTRAINT `classes_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `patterns` (
	`id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`title` varchar(60) NOT NULL,
	`text` varchar(8000) NOT NULL,
	`position` bigint NOT NULL,
	CONSTRAINT `patterns_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `sessions` (
	`token_hash` varchar(64) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`expires_at` bigint NOT NULL,
	CONSTRAINT `sessions_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `takes` (
	`id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`pattern_id` varchar(36),
	`title` varchar(120) NOT NULL,
	`pattern_text` varchar(8000) NOT NULL,
	`bpm` double NOT NULL,
	`ages` varchar(10) NOT NULL,
	`windows` longtext NOT NULL,
	`onsets` longtext NOT NULL,
	`taken_at` bigint NOT NULL,
	`accuracy` double NOT NULL,
	`mark` int NOT NULL,
	`override_mark` int,
	`override_reason` varchar(200) NOT NULL DEFAULT '',
	`result` longtext NOT NULL,
	CONSTRAINT `takes_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `teachers` (
	`id` varchar(36) NOT NULL,
	`name` varchar(60) NOT NULL,
	`password_hash` varchar(200) NOT NULL,
	`created_at` timestamp NOT NULL DEFAULT (now()),
	CONSTRAINT `teachers_id` PRIMARY KEY(`id`),
	CONSTRAINT `teachers_name` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `children` ADD CONSTRAINT `children_class_id_classes_id_fk` FOREIGN KEY IF NOT EXISTS `children_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `classes` ADD CONSTRAINT `classes_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `classes_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `patterns` ADD CONSTRAINT `patterns_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `patterns_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sessions` ADD CONSTRAINT `sessions_teacher_id_teachers_id_fk` FOREIGN KEY IF NOT EXISTS `sessions_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `takes` ADD CONSTRAINT `takes_child_id_children_id_fk` FOREIGN KEY IF NOT EXISTS `takes_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `takes` ADD CONSTRAINT `takes_pattern_id_patterns_id_fk` FOREIGN KEY IF NOT EXISTS `takes_pattern_id_patterns_id_fk` (`pattern_id`) REFERENCES `patterns`(`id`) ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `sessions_expiry` ON `sessions` (`expires_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `takes_child` ON `takes` (`child_id`,`taken_at`);