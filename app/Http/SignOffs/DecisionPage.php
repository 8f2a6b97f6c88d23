<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use OpenApi\Attributes as OA;

/** What stands on the page that a letter about a sign-off leads to. */
#[OA\Schema]
final readonly class DecisionPage
{
    /** @param  list<CaseChangeResource>  $changed */
    public function __construct(
        #[OA\Property]
        public string $record,
        #[OA\Property]
        public string $why,
        #[OA\Property]
        public ?string $asker,
        #[OA\Property]
        public string $rule,
        #[OA\Property(description: 'Who the letter went to.')]
        public string $person,
        #[OA\Property(description: 'Whether it can still be decided here.')]
        public bool $isOpen,
        #[OA\Property(description: 'What has become of it; empty while it can be decided.')]
        public string $said,
        #[OA\Property(format: 'date-time', nullable: true)]
        public ?string $dueAt,
        #[OA\Property(description: 'Whether the record was new: then all of it is news.')]
        public bool $isNew,
        #[OA\Property(items: new OA\Items(type: CaseChangeResource::class))]
        public array $changed,
    ) {
    }
}
