CREATE TABLE "at_hand" (
	"person_id" uuid NOT NULL,
	"path" text NOT NULL,
	"title" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "at_hand_person_id_path_pk" PRIMARY KEY("person_id","path")
);
--> statement-breakpoint
ALTER TABLE "at_hand" ADD CONSTRAINT "at_hand_person_id_people_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;