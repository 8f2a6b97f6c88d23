<?php

declare(strict_types=1);

namespace App\Store\Rules;

use VividLedger\Rule\Reading\RulePage;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Problem;

/**
 * Reads rule files as they come in, strictly: a key that nobody knows, or a value of another sort than the published schema has
 * there, is a problem at its place. What is in force already was let in once, and is read by the reader alone.
 */
final readonly class RuleDoor
{
    public function __construct(private RuleReader $reader)
    {
    }

    /** @param  array<mixed>  $file  finished or not */
    public function read(array $file, int $id = 0, int $page = 0, string $eitherOr = ''): RulePage
    {
        $read = $this->reader->strictly($file, $id, $page, $eitherOr);
        if ($read->problems !== []) {
            return $read;
        }
        $problems = array_map(
            static fn (array $problem): Problem => new Problem($problem['at'], $problem['code'], $problem['message']),
            RuleSchema::problems(json_decode((string) json_encode(['format' => RuleReader::FORMAT] + RuleFile::filled($file)))),
        );

        return $problems === [] ? $read : new RulePage($read->rows, $problems, null, $read->offers);
    }
}
