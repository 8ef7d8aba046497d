using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Made.Migrations
{
    /// <inheritdoc />
    public partial class CitationKeys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "CitationKeys",
                columns: table => new
                {
                    ReviewId = table.Column<int>(type: "INTEGER", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    WorkId = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CitationKeys", x => new { x.ReviewId, x.Key });
                    table.ForeignKey(
                        name: "FK_CitationKeys_Reviews_ReviewId",
                        column: x => x.ReviewId,
                        principalTable: "Reviews",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "CitationKeys");
        }
    }
}
