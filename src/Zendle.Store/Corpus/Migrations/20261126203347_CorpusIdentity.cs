using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Zendle.Store.Corpus.Migrations
{
    /// <inheritdoc />
    public partial class CorpusIdentity : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Corpus",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false),
                    Identity = table.Column<string>(type: "TEXT", nullable: false),
                    RecordFloor = table.Column<int>(type: "INTEGER", nullable: false),
                    WorkFloor = table.Column<int>(type: "INTEGER", nullable: false),
                    SequenceFloor = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Corpus", x => x.Id);
                });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Corpus");
        }
    }
}
