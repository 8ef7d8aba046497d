using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class HarvestReports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "DeletedRecord",
                table: "Databases",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "RunIsWhole",
                table: "Databases",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "WholeAsked",
                table: "Databases",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "WholeAt",
                table: "Databases",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Seen",
                columns: table => new
                {
                    DatabaseId = table.Column<int>(type: "INTEGER", nullable: false),
                    Identifier = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Seen", x => new { x.DatabaseId, x.Identifier });
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Seen");

            migrationBuilder.DropColumn(
                name: "DeletedRecord",
                table: "Databases");

            migrationBuilder.DropColumn(
                name: "RunIsWhole",
                table: "Databases");

            migrationBuilder.DropColumn(
                name: "WholeAsked",
                table: "Databases");

            migrationBuilder.DropColumn(
                name: "WholeAt",
                table: "Databases");
        }
    }
}
