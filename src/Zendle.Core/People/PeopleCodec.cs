using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>The people of one block as bytes, with the permanent numbers they were given.</summary>
/// <remarks>Layout: how many; their numbers; then each with label, ORCID iD, where it is named, and who may be the same.</remarks>
internal static class PeopleCodec
{
    /// <summary>Packs the people of a block.</summary>
    public static byte[] Write(IReadOnlyList<Person> people)
    {
        using var bytes = new MemoryStream(16 + people.Count * 64);
        using var to = new BinaryWriter(bytes, Encoding.UTF8);
        to.Write7BitEncodedInt(people.Count);
        foreach (var person in people)
            to.Write7BitEncodedInt(person.Id);
        foreach (var person in people)
        {
            to.Write(person.Label);
            to.Write(person.Name.Family);
            to.Write(person.Name.Given);
            to.Write(person.Orcid ?? "");
            to.Write7BitEncodedInt(person.Mentions.Count);
            foreach (var at in person.Mentions)
            {
                to.Write7BitEncodedInt(at.WorkId);
                to.Write7BitEncodedInt(at.Position);
                to.Write(at.Mark.Name);
            }
            to.Write7BitEncodedInt(person.Doubtful.Count);
            foreach (var other in person.Doubtful)
                to.Write7BitEncodedInt(other);
        }
        to.Flush();
        return bytes.ToArray();
    }

    /// <summary>The permanent numbers of the people packed.</summary>
    public static int[] Ids(byte[] packed)
    {
        using var from = new BinaryReader(new MemoryStream(packed), Encoding.UTF8);
        return Ids(from);
    }

    /// <summary>The people packed.</summary>
    /// <exception cref="EndOfStreamException">The bytes are not what <see cref="Write"/> made.</exception>
    public static IReadOnlyList<Person> Read(byte[] packed)
    {
        using var from = new BinaryReader(new MemoryStream(packed), Encoding.UTF8);
        var ids = Ids(from);
        var people = new Person[ids.Length];
        for (var i = 0; i < people.Length; i++)
        {
            var label = from.ReadString();
            var name = new PersonName(from.ReadString(), from.ReadString());
            var orcid = from.ReadString();
            var mentions = new NamedAt[from.Read7BitEncodedInt()];
            for (var m = 0; m < mentions.Length; m++)
            {
                var (work, position) = (from.Read7BitEncodedInt(), from.Read7BitEncodedInt());
                mentions[m] = new(new(work, from.ReadInt32()), position);
            }
            var doubtful = new int[from.Read7BitEncodedInt()];
            for (var d = 0; d < doubtful.Length; d++)
                doubtful[d] = from.Read7BitEncodedInt();
            people[i] = new(i, label, name, orcid.Length == 0 ? null : orcid, mentions, doubtful) { Id = ids[i] };
        }
        return people;
    }

    private static int[] Ids(BinaryReader from)
    {
        var ids = new int[from.Read7BitEncodedInt()];
        for (var i = 0; i < ids.Length; i++)
            ids[i] = from.Read7BitEncodedInt();
        return ids;
    }
}
