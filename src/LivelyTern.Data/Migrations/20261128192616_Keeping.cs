using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class Keeping : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Why",
                table: "BoxEvents",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "CoolingReadings",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    BatchId = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Celsius = table.Column<decimal>(type: "TEXT", nullable: false),
                    Place = table.Column<string>(type: "TEXT", nullable: false),
                    AmbientCelsius = table.Column<decimal>(type: "TEXT", nullable: false),
                    DepthCm = table.Column<decimal>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CoolingReadings", x => x.Id);
                    table.ForeignKey(
                        name: "FK_CoolingReadings_Batches_BatchId",
                        column: x => x.BatchId,
                        principalTable: "Batches",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "Keeping",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Guidelines = table.Column<string>(type: "TEXT", nullable: false),
                    Own = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Keeping", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "ReadCautions",
                columns: table => new
                {
                    Code = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ReadCautions", x => x.Code);
                });

            migrationBuilder.CreateIndex(
                name: "IX_CoolingReadings_BatchId",
                table: "CoolingReadings",
                column: "BatchId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CoolingReadings");

            migrationBuilder.DropTable(
                name: "Keeping");

            migrationBuilder.DropTable(
                name: "ReadCautions");

            migrationBuilder.DropColumn(
                name: "Why",
                table: "BoxEvents");
        }
    }
}
