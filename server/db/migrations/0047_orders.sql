CREATE TABLE "customers" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"name" text NOT NULL,
	"reach" text DEFAULT '' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"erased_at" timestamp with time zone,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "customers_number_unique" UNIQUE("number")
);
--> statement-breakpoint
CREATE TABLE "goods" (
	"seq" bigserial NOT NULL,
	"id" uuid PRIMARY KEY NOT NULL,
	"kind" text NOT NULL,
	"lot_id" uuid NOT NULL,
	"group_key" text,
	"pieces" integer NOT NULL,
	"line_id" uuid,
	"set" integer,
	"note" text DEFAULT '' NOT NULL,
	"reverses_id" uuid,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "order_line_lots" (
	"line_id" uuid NOT NULL,
	"lot_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "order_line_lots_line_id_lot_id_pk" PRIMARY KEY("line_id","lot_id")
);
--> statement-breakpoint
CREATE TABLE "order_lines" (
	"id" uuid PRIMARY KEY NOT NULL,
	"order_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"what" text NOT NULL,
	"pieces" integer NOT NULL,
	"piece_weight_mg" bigint,
	"colourway_id" uuid,
	"match_lot_id" uuid,
	"brought" jsonb,
	"brought_note" text DEFAULT '' NOT NULL,
	"set_of" integer,
	"price_minor" integer,
	"care" text DEFAULT '' NOT NULL,
	"tagged_at" timestamp with time zone,
	"tagged_by_id" uuid
);
--> statement-breakpoint
CREATE TABLE "orders" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"customer_id" uuid NOT NULL,
	"state" text NOT NULL,
	"wanted_on" date,
	"note" text DEFAULT '' NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"by_id" uuid NOT NULL,
	CONSTRAINT "orders_number_unique" UNIQUE("number")
);
--> statement-breakpoint
ALTER TABLE "goods" ADD CONSTRAINT "goods_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "goods" ADD CONSTRAINT "goods_line_id_order_lines_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_lines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "goods" ADD CONSTRAINT "goods_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line_lots" ADD CONSTRAINT "order_line_lots_line_id_order_lines_id_fk" FOREIGN KEY ("line_id") REFERENCES "public"."order_lines"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line_lots" ADD CONSTRAINT "order_line_lots_lot_id_lots_id_fk" FOREIGN KEY ("lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_line_lots" ADD CONSTRAINT "order_line_lots_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_lines" ADD CONSTRAINT "order_lines_order_id_orders_id_fk" FOREIGN KEY ("order_id") REFERENCES "public"."orders"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_lines" ADD CONSTRAINT "order_lines_colourway_id_colourways_id_fk" FOREIGN KEY ("colourway_id") REFERENCES "public"."colourways"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_lines" ADD CONSTRAINT "order_lines_match_lot_id_lots_id_fk" FOREIGN KEY ("match_lot_id") REFERENCES "public"."lots"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "order_lines" ADD CONSTRAINT "order_lines_tagged_by_id_people_id_fk" FOREIGN KEY ("tagged_by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "orders" ADD CONSTRAINT "orders_customer_id_customers_id_fk" FOREIGN KEY ("customer_id") REFERENCES "public"."customers"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "orders" ADD CONSTRAINT "orders_by_id_people_id_fk" FOREIGN KEY ("by_id") REFERENCES "public"."people"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "goods_lot" ON "goods" USING btree ("lot_id","seq");--> statement-breakpoint
CREATE UNIQUE INDEX "goods_reverses" ON "goods" USING btree ("reverses_id") WHERE "goods"."reverses_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "order_line_lots_lot" ON "order_line_lots" USING btree ("lot_id");--> statement-breakpoint
CREATE INDEX "order_lines_order" ON "order_lines" USING btree ("order_id");--> statement-breakpoint
CREATE INDEX "orders_customer" ON "orders" USING btree ("customer_id");--> statement-breakpoint
CREATE TRIGGER append_only BEFORE UPDATE OR DELETE ON "goods" FOR EACH ROW EXECUTE FUNCTION vestigia_append_only();--> statement-breakpoint
CREATE TRIGGER append_only_truncate BEFORE TRUNCATE ON "goods" FOR EACH STATEMENT EXECUTE FUNCTION vestigia_append_only();
