<?php

declare(strict_types=1);

namespace App\Store\Outbound;

use App\Models\Outbound\NoticeKind;

/** Something that happened for somebody. */
final readonly class Notice
{
    /** @param  int  $id  of what it tells of, among all of its kind */
    public function __construct(
        public NoticeKind $kind,
        public int $id,
        public \DateTimeImmutable $at,
        public string $title,
        public string $recordType,
        public int $recordId,
    ) {
    }

    /** What names it among all notices. */
    public function key(): string
    {
        return "{$this->kind->value}:{$this->id}";
    }
}
