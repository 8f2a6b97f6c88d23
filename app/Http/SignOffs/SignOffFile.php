<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Models\People\Person;
use App\Store\CsvLine;
use App\Store\SignOffs\SignOffFilter;
use VividLedger\SignOff\SignOffStatus;
use VividLedger\Words\Words;

/** Sign-offs as lines of a CSV file, read page by page, so that ten thousand take no more memory than a hundred. */
final readonly class SignOffFile
{
    private const A_PAGE = 200;

    public function __construct(private SignOffs $signOffs)
    {
    }

    /** @return \Generator<string> each with its line end; moments as ISO 8601 in UTC, hours with one decimal */
    public function lines(string $box, Person $me, SignOffFilter $filter): \Generator
    {
        yield CsvLine::of([
            Words::say('Record'), Words::say('Title'), Words::say('Rule'), Words::say('Why'), Words::say('Asked by'), Words::say('Status'),
            Words::say('Started'), Words::say('Ended'), Words::say('Hours'), Words::say('Agreed'), Words::say('Declined'),
            Words::say('Waits for'),
        ]);
        $after = null;
        do {
            $page = $this->signOffs->listed($box, $me, $filter, $after, self::A_PAGE);
            foreach ($page as $one) {
                $after = $one->id;
                $hours = $one->endedAt === null ? '' : sprintf('%.1f', (strtotime($one->endedAt) - strtotime($one->startedAt)) / 3600);
                yield CsvLine::of([
                    $one->recordNumber, $one->recordTitle, $one->ruleName, $one->why, (string) $one->asker,
                    SignOffStatus::from($one->status)->word(), $one->startedAt, (string) $one->endedAt, $hours,
                    self::people($one, 'yes'), self::people($one, 'no'), self::people($one, 'waiting'),
                ]);
            }
        } while (count($page) === self::A_PAGE);
    }

    private static function people(SignOffResource $one, string $state): string
    {
        return implode(', ', array_map(
            static fn (SeatResource $seat): string => $seat->person,
            array_filter($one->seats, static fn (SeatResource $seat): bool => $seat->state === $state),
        ));
    }
}
