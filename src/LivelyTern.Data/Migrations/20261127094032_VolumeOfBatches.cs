using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace LivelyTern.Data.Migrations
{
    /// <inheritdoc />
    public partial class VolumeOfBatches : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<decimal>(
                name: "VolumeMl",
                table: "Batches",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "VolumeMl",
                table: "Batches");
        }
    }
}
