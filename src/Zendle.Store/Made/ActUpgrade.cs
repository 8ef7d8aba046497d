using Microsoft.Data.Sqlite;
using Zendle.Core.Reviews.Acts;

namespace Zendle.Store.Made;

/// <summary>
/// Functions by which a migration writes acts and states of earlier versions as they are written today. What cannot be
/// read stays as it is: one damaged step is told where it is looked at, and blocks no start.
/// </summary>
internal static class ActUpgrade
{
    /// <summary>SQL that brings every act and every state up to today's version.</summary>
    public const string Sql = "UPDATE Steps SET Act = zendle_act(Act); UPDATE Runs SET State = zendle_state(State);";

    /// <summary>Makes the functions known to a connection, for as long as it is open.</summary>
    public static void AddTo(SqliteConnection connection)
    {
        connection.CreateFunction("zendle_act", (string stored) => Unless(stored, StoredActs.Upgraded), true);
        connection.CreateFunction("zendle_state", (string stored) => Unless(stored, StoredActs.UpgradedState), true);
    }

    private static string Unless(string stored, Func<string, string> upgraded)
    {
        try
        {
            return upgraded(stored);
        }
        catch (UnreadableActException)
        {
            return stored;
        }
    }
}
