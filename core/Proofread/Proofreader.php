<?php

declare(strict_types=1);

namespace VividLedger\Proofread;

use VividLedger\Proofread\Check\AfterTheEnd;
use VividLedger\Proofread\Check\AlwaysInQuietHours;
use VividLedger\Proofread\Check\CaseNeverComes;
use VividLedger\Proofread\Check\ChaseWithoutEnd;
use VividLedger\Proofread\Check\Check;
use VividLedger\Proofread\Check\ConditionsHold;
use VividLedger\Proofread\Check\DateThatMoves;
use VividLedger\Proofread\Check\EscalatesToTheSame;
use VividLedger\Proofread\Check\FallTogether;
use VividLedger\Proofread\Check\FindsNobody;
use VividLedger\Proofread\Check\MessageAtEachSave;
use VividLedger\Proofread\Check\NamesWhoLeft;
use VividLedger\Proofread\Check\NobodyDecides;
use VividLedger\Proofread\Check\OwnEcho;
use VividLedger\Proofread\Check\RangesOfSet;
use VividLedger\Proofread\Check\SetDifferently;
use VividLedger\Proofread\Check\SetOffEachOther;
use VividLedger\Proofread\Check\Shadowed;
use VividLedger\Proofread\Check\TaskOutlives;
use VividLedger\Proofread\Check\WaitsWithoutEnd;

/** Reads a sound rule once more for what is allowed but hardly meant. Every "never" and "always" it says is certain. */
final class Proofreader
{
    /** @var list<class-string<Check>> in the order their remarks are shown; a new one is a new file and one line here */
    public const ALL = [
        ConditionsHold::class, CaseNeverComes::class, Shadowed::class, RangesOfSet::class, SetOffEachOther::class,
        SetDifferently::class, OwnEcho::class, MessageAtEachSave::class,
        ChaseWithoutEnd::class, AfterTheEnd::class, DateThatMoves::class, EscalatesToTheSame::class, AlwaysInQuietHours::class,
        FallTogether::class, WaitsWithoutEnd::class, TaskOutlives::class, NobodyDecides::class, FindsNobody::class, NamesWhoLeft::class,
    ];

    /** @return list<Remark> the weightiest first */
    public static function read(RuleAmongOthers $among): array
    {
        $remarks = [];
        foreach (self::ALL as $check) {
            array_push($remarks, ...(new $check)->remarks($among));
        }
        $order = [Level::Blocks->value => 0, Level::Look->value => 1, Level::Note->value => 2];
        usort($remarks, static fn (Remark $one, Remark $other): int => $order[$one->level->value] <=> $order[$other->level->value]);

        return $remarks;
    }
}
