<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Ledger\EntryResource;
use OpenApi\Attributes as OA;

/** What the ledger would keep of one thing that happens in a rehearsal. */
#[OA\Schema]
final readonly class PaperEntryResource
{
    /**
     * @param  list<PaperMessage>  $messages
     * @param  list<PaperTaskResource>  $tasks
     */
    public function __construct(
        #[OA\Property]
        public EntryResource $entry,
        #[OA\Property(description: 'Whether it is of the rehearsed rule.')]
        public bool $own,
        #[OA\Property(description: 'Whether it was supposed.')]
        public bool $whatIf,
        #[OA\Property(items: new OA\Items(type: PaperMessage::class))]
        public array $messages,
        #[OA\Property(items: new OA\Items(type: PaperTaskResource::class))]
        public array $tasks,
    ) {
    }
}
