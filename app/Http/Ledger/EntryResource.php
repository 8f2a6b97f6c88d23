<?php

declare(strict_types=1);

namespace App\Http\Ledger;

use App\Http\Describe\SaysObjects;
use App\Http\Records\ChangeResource;
use App\Http\Records\HeadResource;
use App\Http\Rules\OutcomeResource;
use OpenApi\Attributes as OA;

/** One numbered row of the ledger. */
#[OA\Schema]
final readonly class EntryResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  list<ChangeResource>  $changes
     * @param  list<OutcomeResource>  $outcomes
     * @param  array<array-key, mixed>  $data
     */
    public function __construct(
        #[OA\Property]
        public int $number,
        #[OA\Property]
        public string $kind,
        #[OA\Property(format: 'date-time')]
        public string $at,
        #[OA\Property]
        public ?string $who,
        #[OA\Property]
        public ?int $whoId,
        #[OA\Property]
        public ?string $whoHandle,
        #[OA\Property]
        public string $via,
        #[OA\Property]
        public ?string $recordType,
        #[OA\Property]
        public ?int $recordId,
        #[OA\Property]
        public ?string $recordNumber,
        #[OA\Property]
        public ?string $recordTitle,
        #[OA\Property]
        public ?int $rule,
        #[OA\Property]
        public ?string $ruleName,
        #[OA\Property]
        public ?int $page,
        #[OA\Property]
        public ?int $task,
        #[OA\Property]
        public ?int $cause,
        #[OA\Property(items: new OA\Items(type: ChangeResource::class))]
        public array $changes,
        #[OA\Property(description: 'What happened, where its record is known.')]
        public HeadResource $head,
        #[OA\Property(description: 'What happened, with its record named.')]
        public HeadResource $headInLedger,
        #[OA\Property(description: 'A second line, or several; empty for none.')]
        public string $detail,
        #[OA\Property(items: new OA\Items(type: OutcomeResource::class))]
        public array $outcomes,
        #[OA\Property]
        public ?VerdictResource $why,
        #[OA\Property(description: 'Whether rules were asked, so that each can be asked why it did or did not fire.')]
        public bool $answered,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $data,
        #[OA\Property(description: 'Number of the request by which it came about, as the log names it.', nullable: true)]
        public ?string $request = null,
    ) {
    }
}
