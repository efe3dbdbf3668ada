CREATE TABLE IF NOT EXISTS `child_elements` (
	`child_id` varchar(36) NOT NULL,
	`element` varchar(30) NOT NULL,
	`measures` int NOT NULL,
	`right_part` double NOT NULL,
	`weight` double NOT NULL,
	`days` int NOT NULL,
	`last_seen` bigint NOT NULL,
	CONSTRAINT `child_elements_child_id_element_pk` PRIMARY KEY(`child_id`,`element`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `child_patterns` (
	`child_id` varchar(36) NOT NULL,
	`pattern_key` varchar(36) NOT NULL,
	`title` varchar(120) NOT NULL,
	`takes` int NOT NULL,
	`best` int NOT NULL,
	`last_mark` int NOT NULL,
	`mark_sum` int NOT NULL,
	`last_at` bigint NOT NULL,
	CONSTRAINT `child_patterns_child_id_pattern_key_pk` PRIMARY KEY(`child_id`,`pattern_key`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `line_up_turns` (
	`line_up_id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`position` int NOT NULL,
	`pattern_id` varchar(36) NOT NULL,
	`state` varchar(10) NOT NULL DEFAULT 'waiting',
	`mark` int,
	`take_id` varchar(36),
	CONSTRAINT `line_up_turns_line_up_id_child_id_pk` PRIMARY KEY(`line_up_id`,`child_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `line_ups` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`title` varchar(60) NOT NULL,
	`settings` longtext NOT NULL,
	`started_at` bigint NOT NULL,
	CONSTRAINT `line_ups_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `paper_columns` (
	`id` varchar(36) NOT NULL,
	`class_id` varchar(36) NOT NULL,
	`title` varchar(60) NOT NULL,
	`out_of` int NOT NULL,
	`taken_at` bigint NOT NULL,
	CONSTRAINT `paper_columns_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `paper_marks` (
	`column_id` varchar(36) NOT NULL,
	`child_id` varchar(36) NOT NULL,
	`points` double NOT NULL,
	CONSTRAINT `paper_marks_column_id_child_id_pk` PRIMARY KEY(`column_id`,`child_id`)
);
--> statement-breakpoint
ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `position` bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `adaptations` longtext;--> statement-breakpoint
ALTER TABLE `children` ADD COLUMN IF NOT EXISTS `binned_at` bigint;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `counts` varchar(10) DEFAULT 'best' NOT NULL;--> statement-breakpoint
ALTER TABLE `classes` ADD COLUMN IF NOT EXISTS `binned_at` bigint;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `pattern_key` varchar(36) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `elements` varchar(400) character set ascii DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `hardest` int;--> statement-breakpoint
ALTER TABLE `takes` ADD COLUMN IF NOT EXISTS `misread` varchar(120) character set ascii DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `child_elements` ADD CONSTRAINT `child_elements_child_id_children_id_fk` FOREIGN KEY IF NOT EXISTS `child_elements_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `child_patterns` ADD CONSTRAINT `child_patterns_child_id_children_id_fk` FOREIGN KEY IF NOT EXISTS `child_patterns_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `line_up_turns` ADD CONSTRAINT `line_up_turns_line_up_id_line_ups_id_fk` FOREIGN KEY IF NOT EXISTS `line_up_turns_line_up_id_line_ups_id_fk` (`line_up_id`) REFERENCES `line_ups`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `line_up_turns` ADD CONSTRAINT `line_up_turns_child_id_children_id_fk` FOREIGN KEY IF NOT EXISTS `line_up_turns_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `line_ups` ADD CONSTRAINT `line_ups_class_id_classes_id_fk` FOREIGN KEY IF NOT EXISTS `line_ups_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `paper_columns` ADD CONSTRAINT `paper_columns_class_id_classes_id_fk` FOREIGN KEY IF NOT EXISTS `paper_columns_class_id_classes_id_fk` (`class_id`) REFERENCES `classes`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `paper_marks` ADD CONSTRAINT `paper_marks_column_id_paper_columns_id_fk` FOREIGN KEY IF NOT EXISTS `paper_marks_column_id_paper_columns_id_fk` (`column_id`) REFERENCES `paper_columns`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `paper_marks` ADD CONSTRAINT `paper_marks_child_id_children_id_fk` FOREIGN KEY IF NOT EXISTS `paper_marks_child_id_children_id_fk` (`child_id`) REFERENCES `children`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `line_up_turns_take` ON `line_up_turns` (`take_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `line_ups_class` ON `line_ups` (`class_id`,`started_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `paper_columns_class` ON `paper_columns` (`class_id`,`taken_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `takes_records` ON `takes` (`child_id`,`taken_at`,`id`,`pattern_key`,`mark`,`override_mark`,`bpm`,`hardest`,`accuracy`,`elements`);--> statement-breakpoint
DROP INDEX IF EXISTS `takes_child` ON `takes`;--> statement-breakpoint
UPDATE `takes` SET `pattern_key` = COALESCE(`pattern_id`, LEFT(SHA2(`pattern_text`, 256), 36)) WHERE `pattern_key` = '';
