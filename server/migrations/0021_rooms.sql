CREATE TABLE IF NOT EXISTS `home_days` (
	`week_id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`item` int NOT NULL,
	`day` int NOT NULL,
	`times` int NOT NULL,
	CONSTRAINT `home_days_week_id_child_id_item_day_pk` PRIMARY KEY(`week_id`,`child_id`,`item`,`day`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `home_links` (
	`token` varchar(22) NOT NULL,
	`week_id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`until_at` bigint NOT NULL,
	CONSTRAINT `home_links_token` PRIMARY KEY(`token`),
	CONSTRAINT `home_links_child` UNIQUE(`week_id`,`child_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `home_takes` (
	`id` varchar(36) NOT NULL,
	`week_id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`item` int NOT NULL,
	`bpm` double NOT NULL,
	`onsets` longtext NOT NULL,
	`source` varchar(12) NOT NULL,
	`taken_at` bigint NOT NULL,
	`accuracy` double NOT NULL,
	CONSTRAINT `home_takes_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `room_answers` (
	`room_id` varchar(36) NOT NULL,
	`number` int NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`ready` boolean NOT NULL DEFAULT false,
	`option_chosen` int,
	`text` varchar(400),
	`take_id` varchar(36),
	CONSTRAINT `room_answers_room_id_number_child_id_pk` PRIMARY KEY(`room_id`,`number`,`child_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `room_rounds` (
	`room_id` varchar(36) NOT NULL,
	`number` int NOT NULL,
	`task` longtext NOT NULL,
	`phase` varchar(10) NOT NULL,
	`starts_at` bigint,
	CONSTRAINT `room_rounds_room_id_number_pk` PRIMARY KEY(`room_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `room_seats` (
	`token_hash` varchar(64) NOT NULL,
	`room_id` varchar(36) NOT NULL,
	`child_id` varchar(36),
	`place` int NOT NULL DEFAULT 0,
	`seen_at` bigint NOT NULL,
	CONSTRAINT `room_seats_token_hash` PRIMARY KEY(`token_hash`),
	CONSTRAINT `room_seats_child` UNIQUE(`room_id`,`child_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `rooms` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`teacher_id` varchar(36) NOT NULL,
	`pictures` varchar(60) NOT NULL,
	`door` varchar(60),
	`codes` boolean NOT NULL,
	`marks_shown` boolean NOT NULL,
	`names_shown` boolean NOT NULL,
	`opened_at` bigint NOT NULL,
	`ends_at` bigint NOT NULL,
	`round` int NOT NULL DEFAULT 0,
	`revision` int NOT NULL DEFAULT 0,
	CONSTRAINT `rooms_id` PRIMARY KEY(`id`),
	CONSTRAINT `rooms_door` UNIQUE(`door`)
);
--> statement-breakpoint
ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `room_code` varchar(4);--> statement-breakpoint
ALTER TABLE `home_days` ADD FOREIGN KEY IF NOT EXISTS `home_days_week_id_practice_weeks_id_fk` (`week_id`) REFERENCES `practice_weeks`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `home_days` ADD FOREIGN KEY IF NOT EXISTS `home_days_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `home_links` ADD FOREIGN KEY IF NOT EXISTS `home_links_week_id_practice_weeks_id_fk` (`week_id`) REFERENCES `practice_weeks`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `home_links` ADD FOREIGN KEY IF NOT EXISTS `home_links_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `home_takes` ADD FOREIGN KEY IF NOT EXISTS `home_takes_week_id_practice_weeks_id_fk` (`week_id`) REFERENCES `practice_weeks`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `home_takes` ADD FOREIGN KEY IF NOT EXISTS `home_takes_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room_answers` ADD FOREIGN KEY IF NOT EXISTS `room_answers_room_id_rooms_id_fk` (`room_id`) REFERENCES `rooms`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room_answers` ADD FOREIGN KEY IF NOT EXISTS `room_answers_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room_rounds` ADD FOREIGN KEY IF NOT EXISTS `room_rounds_room_id_rooms_id_fk` (`room_id`) REFERENCES `rooms`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room_seats` ADD FOREIGN KEY IF NOT EXISTS `room_seats_room_id_rooms_id_fk` (`room_id`) REFERENCES `rooms`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `room_seats` ADD FOREIGN KEY IF NOT EXISTS `room_seats_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rooms` ADD FOREIGN KEY IF NOT EXISTS `rooms_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rooms` ADD FOREIGN KEY IF NOT EXISTS `rooms_teacher_id_teachers_id_fk` (`teacher_id`) REFERENCES `teachers`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `home_links_until` ON `home_links` (`until_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `home_takes_child` ON `home_takes` (`week_id`,`child_id`,`item`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `rooms_class` ON `rooms` (`class_id`,`ends_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `rooms_pictures` ON `rooms` (`pictures`);