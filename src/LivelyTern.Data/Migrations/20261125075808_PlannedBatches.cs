using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class PlannedBatches : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "BatchId",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<decimal>(
                name: "Grams",
                table: "PlanItems",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "IsAhead",
                table: "Batches",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateIndex(
                name: "IX_PlanItems_BatchId",
                table: "PlanItems",
                column: "BatchId");

            migrationBuilder.AddForeignKey(
                name: "FK_PlanItems_Batches_BatchId",
                table: "PlanItems",
                column: "BatchId",
                principalTable: "Batches",
                principalColumn: "Id",
                onDelete: ReferentialAction.Restrict);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_PlanItems_Batches_BatchId",
                table: "PlanItems");

            migrationBuilder.DropIndex(
                name: "IX_PlanItems_BatchId",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "BatchId",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "Grams",
                table: "PlanItems");

            migrationBuilder.DropColumn(
                name: "IsAhead",
                table: "Batches");
        }
    }
}
