using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class APastThatStays : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Aims",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    From = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Aim = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Aims", x => new { x.EaterId, x.From });
                    table.ForeignKey(
                        name: "FK_Aims_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "DateBands",
                columns: table => new
                {
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Measure = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Min = table.Column<decimal>(type: "TEXT", nullable: true),
                    Target = table.Column<decimal>(type: "TEXT", nullable: true),
                    Max = table.Column<decimal>(type: "TEXT", nullable: true),
                    Tolerance = table.Column<decimal>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DateBands", x => new { x.EaterId, x.Day, x.Measure });
                    table.ForeignKey(
                        name: "FK_DateBands_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Entries",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    CorrectsId = table.Column<Guid>(type: "TEXT", nullable: true),
                    IsTakenBack = table.Column<bool>(type: "INTEGER", nullable: false),
                    ItemId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EaterId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    EatenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    WrittenAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    BoxId = table.Column<Guid>(type: "TEXT", nullable: true),
                    Decigrams = table.Column<long>(type: "INTEGER", nullable: false),
                    Decikilocalories = table.Column<long>(type: "INTEGER", nullable: false),
                    Measures = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Entries", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Entries_Eaters_EaterId",
                        column: x => x.EaterId,
                        principalTable: "Eaters",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                    table.ForeignKey(
                        name: "FK_Entries_Entries_CorrectsId",
                        column: x => x.CorrectsId,
                        principalTable: "Entries",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Entries_CorrectsId",
                table: "Entries",
                column: "CorrectsId",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Entries_EaterId_Day",
                table: "Entries",
                columns: new[] { "EaterId", "Day" });

            migrationBuilder.CreateIndex(
                name: "IX_Entries_ItemId",
                table: "Entries",
                column: "ItemId");

            // What held so far holds from the beginning of time; the bands of single dates become rows.
            migrationBuilder.Sql("""
                INSERT INTO "Aims" ("EaterId", "From", "Aim")
                SELECT e."Id", '0001-01-01', json_object(
                  'v', 1,
                  'leading', json(e."Aim" -> '$.leading'),
                  'bands', json((SELECT json_group_object(b.key, json_object('min', json(b.value -> '$.min'), 'target', json(b.value -> '$.target'), 'max', json(b.value -> '$.max'), 'tolerance', json(b.value -> '$.tolerance')))
                    FROM json_each(e."Aim", '$.bands') b)),
                  'rule', CASE WHEN json_type(e."Aim", '$.rule') = 'object' THEN json_object(
                    'name', json(e."Aim" -> '$.rule.name'), 'perUnit', json(e."Aim" -> '$.rule.perUnit'), 'step', json(e."Aim" -> '$.rule.step'),
                    'freeGroups', json(e."Aim" -> '$.rule.freeGroups'), 'freeFoods', json(e."Aim" -> '$.rule.freeFoods'),
                    'fixedValues', json(coalesce(e."Aim" -> '$.rule.fixedValues', '[]'))) END,
                  'leavesOutIncompleteProtein', CASE json_extract(e."Aim", '$.leavesOutIncompleteProtein') WHEN 1 THEN json('true') ELSE json('false') END,
                  'weekdays', json((SELECT json_group_array(json_object(
                      'name', json(o.value -> '$.name'), 'weekday', json(o.value -> '$.weekday'),
                      'bands', json((SELECT json_group_object(b.key, json_object('min', json(b.value -> '$.min'), 'target', json(b.value -> '$.target'), 'max', json(b.value -> '$.max'), 'tolerance', json(b.value -> '$.tolerance')))
                        FROM json_each(o.value, '$.bands') b))))
                    FROM json_each(coalesce(e."Ways", '{}'), '$.otherDays') o WHERE json_type(o.value, '$.weekday') = 'text')))
                FROM "Eaters" e;
                """);
            migrationBuilder.Sql("""
                INSERT INTO "DateBands" ("EaterId", "Day", "Measure", "Name", "Min", "Target", "Max", "Tolerance")
                SELECT e."Id", o.value ->> '$.date', upper(substr(b.key, 1, 1)) || substr(b.key, 2), o.value ->> '$.name',
                  nullif(b.value -> '$.min', 'null'), nullif(b.value -> '$.target', 'null'), nullif(b.value -> '$.max', 'null'), nullif(b.value -> '$.tolerance', 'null')
                FROM "Eaters" e, json_each(coalesce(e."Ways", '{}'), '$.otherDays') o, json_each(o.value, '$.bands') b
                WHERE json_type(o.value, '$.date') = 'text';
                """);
            migrationBuilder.Sql("""UPDATE "Eaters" SET "Ways" = json_set("Ways", '$.otherDays', json('[]')) WHERE json_type("Ways") = 'object';""");
            migrationBuilder.Sql("""ALTER TABLE "Eaters" DROP COLUMN "Aim";""");

            // A ledger: the file itself refuses what would rewrite it.
            migrationBuilder.Sql("""
                CREATE TRIGGER "Entries_stay" BEFORE UPDATE ON "Entries" BEGIN SELECT RAISE(ABORT, 'What was eaten is not rewritten: a correction is a new entry.'); END;
                CREATE TRIGGER "Entries_remain" BEFORE DELETE ON "Entries" BEGIN SELECT RAISE(ABORT, 'What was eaten is not taken out of the ledger.'); END;
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Aims");

            migrationBuilder.DropTable(
                name: "DateBands");

            migrationBuilder.DropTable(
                name: "Entries");

            migrationBuilder.AddColumn<string>(
                name: "Aim",
                table: "Eaters",
                type: "TEXT",
                nullable: false,
                defaultValue: "");
        }
    }
}
