using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Pantomet.Application.Jobs;
using Pantomet.Application.Pages;
using Pantomet.Core.Facts;
using Pantomet.Core.Geometry;
using Pantomet.Core.Markup;
using Pantomet.Data;
using Pantomet.Data.Live;

namespace Pantomet.Application.Live;

/// <summary>How a place of the job stands against what is published.</summary>
public enum LiveState
{
    /// <summary>It is not published yet.</summary>
    Fresh,

    /// <summary>What is published is what the job has.</summary>
    Live,

    /// <summary>The job has something else than what is published.</summary>
    Differs,

    /// <summary>The job has it no more; it answers for a while.</summary>
    Gone,
}

/// <summary>One picture in one place of a publication.</summary>
/// <param name="Path">What its address goes on with.</param>
/// <param name="Picture">The picture.</param>
/// <param name="Slot">The address of its slot, or of the last of its group.</param>
/// <param name="Name">The name of the slot or group.</param>
/// <param name="State">How it stands.</param>
/// <param name="Version">The version that is live.</param>
/// <param name="At">When that was published, UTC.</param>
/// <param name="Address">The address that leads to the newest.</param>
/// <param name="Fixed">The address of this version, which never changes.</param>
/// <param name="Html">The element for a page, with addresses that lead to the newest.</param>
/// <param name="HtmlFixed">The same with addresses of this version.</param>
/// <param name="ExpiresAt">When it stops to answer, UTC; null for what goes on.</param>
/// <param name="Before">Where it differs, the address of a file that is live and that the job has otherwise.</param>
/// <param name="Now">The id of the job's file that stands for it, once it is made.</param>
/// <param name="Fetches">How often one of its files was sent.</param>
/// <param name="Unchanged">How often one was found to be still the same.</param>
/// <param name="Bytes">What was sent.</param>
public sealed record PublishedPlace(
    string Path,
    Guid Picture,
    string Slot,
    string Name,
    LiveState State,
    string? Version,
    DateTime? At,
    string? Address,
    string? Fixed,
    string? Html,
    string? HtmlFixed,
    DateTime? ExpiresAt,
    string? Before,
    string? Now,
    long Fetches,
    long Unchanged,
    long Bytes
);

/// <summary>What is published of a job.</summary>
/// <param name="Key">The first part of its addresses; null while it is not published.</param>
/// <param name="At">When it was published last, UTC.</param>
/// <param name="OldAnswersDays">For how many days what was published answers once something newer took its place.</param>
/// <param name="Places">Every place of the job, and those that it has no more.</param>
public sealed record PublicationView(string? Key, DateTime? At, int OldAnswersDays, IReadOnlyList<PublishedPlace> Places);

/// <summary>Compares what is published of a job with the job as it is.</summary>
/// <param name="db">The database.</param>
/// <param name="store">The live links.</param>
public sealed class PublicationReader(PantometDb db, LiveLinkStore store)
{
    /// <summary>What is published of a job, beside what the job has now.</summary>
    public async Task<PublicationView> OfAsync(JobBoard board, string address, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(board);
        var id = board.State.Id;
        var publication = await db
            .Publications.AsNoTracking()
            .FirstOrDefaultAsync(row => row.JobId == id && row.UnpublishedAt == null, cancel);
        var counts = publication is null
            ? []
            : await db
                .FetchCounts.AsNoTracking()
                .Where(row => row.PublicationId == publication.Id)
                .ToDictionaryAsync(row => row.Path, cancel);
        var known = publication is null
            ? []
            : (await store.PlacesAsync(cancel))
                .Values.Where(place => place.Publication == publication.Id)
                .ToDictionary(place => place.Path);
        var places = new List<PublishedPlace>();
        foreach (var now in Publishing.Now(board))
        {
            known.Remove(now.Path, out var live);
            places.Add(await PlaceAsync(db, publication, now, live, counts.GetValueOrDefault(now.Path), address, cancel));
        }

        places.AddRange(known.Values.Select(gone => Gone(publication!, gone, counts.GetValueOrDefault(gone.Path), address)));
        return new(publication?.Key, publication?.At, (int)Publishing.OldAnswers.TotalDays, places);
    }

    private static async Task<PublishedPlace> PlaceAsync(
        PantometDb db,
        PublicationRow? publication,
        PlaceNow now,
        LivePlace? live,
        FetchCountRow? counts,
        string address,
        CancellationToken cancel
    )
    {
        var version = live?.Versions[0];
        var state =
            version is null ? LiveState.Fresh
            : version.ExpiresAt is not null || version.Version != now.Version ? LiveState.Differs
            : LiveState.Live;
        var place = View(
            publication,
            now.Path,
            now.Picture.Id,
            $"{now.Place.Destination}/{now.Place.Slots[^1].Key}",
            now.Place.IsGroup ? now.Place.Key : now.Place.Slots[0].Name,
            state,
            version,
            counts,
            address
        );
        if (state != LiveState.Differs)
        {
            return place;
        }

        var slot = version!.Slots.FirstOrDefault(slot => Differs(slot, now)) ?? version.Slots[^1];
        return place with
        {
            Before = $"{OfSlot(place.Address!, version, slot)}?v={version.Version}",
            Now = await MadeAsync(db, now, slot, cancel),
        };
    }

    private static bool Differs(LiveSlot slot, PlaceNow now) =>
        !slot
            .Rungs.SelectMany(rung => rung.Files)
            .Select(file => file.Id)
            .ToHashSet()
            .SetEquals(now.Files.Where(file => file.Wanted.Slot.Key == slot.Slot.Key).Select(file => file.Wanted.Id));

    private static PublishedPlace Gone(PublicationRow publication, LivePlace live, FetchCountRow? counts, string address)
    {
        var parts = live.Path.Split('/');
        var version = live.Versions[0];
        return View(
            publication,
            live.Path,
            version.PictureId,
            $"{parts[1]}/{version.Slots[^1].Slot.Key}",
            parts[2],
            LiveState.Gone,
            version,
            counts,
            address
        );
    }

    private static PublishedPlace View(
        PublicationRow? publication,
        string path,
        Guid picture,
        string slot,
        string name,
        LiveState state,
        LiveVersion? version,
        FetchCountRow? counts,
        string address
    )
    {
        var at = publication is null ? null : $"{address}live/{publication.Key}/{path}";
        return new(
            path,
            picture,
            slot,
            name,
            state,
            version?.Version,
            version?.At,
            version is null ? null : at,
            version is null ? null : $"{at}?v={version.Version}",
            version is null ? null : HtmlWriter.Page(PictureOf(path, version, at!, null)),
            version is null ? null : HtmlWriter.Page(PictureOf(path, version, at!, version.Version)),
            version?.ExpiresAt,
            null,
            null,
            counts?.Fetches ?? 0,
            counts?.Unchanged ?? 0,
            counts?.Bytes ?? 0
        );
    }

    // Of a place with one address for all types there is nothing to choose but the width.
    private static MarkupPicture PictureOf(string path, LiveVersion version, string address, string? fixedTo) =>
        new(
            path.Replace('/', '-'),
            [
                .. version.Slots.Select(slot => new MarkupSlot(
                    slot.Slot,
                    slot.Asked,
                    [
                        .. slot.Rungs.Select(rung => new MarkupFile(
                            Descriptor.TryParse(rung.Descriptor, out var descriptor) ? descriptor : Density.One,
                            new(rung.Width, rung.Height),
                            PictureFormat.Jpeg,
                            0,
                            AddressOf(address, version, slot, rung, fixedTo)
                        )),
                    ]
                )),
            ],
            version.Alternative
        );

    private static string AddressOf(string address, LiveVersion version, LiveSlot slot, LiveRung rung, string? fixedTo)
    {
        var of = OfSlot(address, version, slot);
        var query = string.Create(CultureInfo.InvariantCulture, $"w={rung.Width}");
        return fixedTo is null ? $"{of}?{query}" : $"{of}?v={fixedTo}&{query}";
    }

    // The last slot of a group answers at the place's own address.
    private static string OfSlot(string address, LiveVersion version, LiveSlot slot) =>
        slot == version.Slots[^1] ? address : $"{address}/{slot.Slot.Key}";

    // The job's file that stands where the plain one of what is live does.
    private static async Task<string?> MadeAsync(PantometDb db, PlaceNow now, LiveSlot live, CancellationToken cancel)
    {
        var width = live.At(null).Width;
        var ids = now
            .Files.Where(file => file.Wanted.Slot.Key == live.Slot.Key)
            .OrderBy(file => Math.Abs(file.Wanted.Request.Plan.Size.Width - width))
            .Select(file => file.Wanted.Id)
            .ToList();
        var made = await db.Variants.AsNoTracking().Where(row => ids.Contains(row.Id)).Select(row => row.Id).ToListAsync(cancel);
        return ids.FirstOrDefault(made.Contains);
    }
}
