<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Describe\SaysObjects;
use App\Http\Ledger\VerdictResource;
use App\Http\Records\RecordResource;
use App\Http\Today\TallyResource;
use OpenApi\Attributes as OA;

/** The life of a rule on one record, played on paper. */
#[OA\Schema]
final readonly class RehearsalResource implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $opening
     * @param  list<string>  $whatIfs
     * @param  list<PaperEntryResource>  $entries
     * @param  list<PaperLineResource>  $struck
     * @param  list<PaperLineResource>  $left
     * @param  list<PaperSlipResource>  $slips
     * @param  list<string>  $signOffs
     */
    public function __construct(
        #[OA\Property]
        public RecordResource $record,
        #[OA\Property(enum: ['chosen', 'matched', 'nearly', 'made_up'])]
        public string $pick,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $opening,
        #[OA\Property]
        public string $openingSaid,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $whatIfs,
        #[OA\Property(items: new OA\Items(type: PaperEntryResource::class))]
        public array $entries,
        #[OA\Property(items: new OA\Items(type: PaperLineResource::class))]
        public array $struck,
        #[OA\Property(items: new OA\Items(type: PaperLineResource::class))]
        public array $left,
        #[OA\Property]
        public TallyResource $tally,
        #[OA\Property]
        public ?TallyResource $without,
        #[OA\Property]
        public ?VerdictResource $why,
        #[OA\Property(format: 'date-time')]
        public string $from,
        #[OA\Property(format: 'date-time')]
        public string $until,
        #[OA\Property(description: 'Whether more would come than is shown.')]
        public bool $goesOn,
        #[OA\Property(description: 'Slips that were sent.', items: new OA\Items(type: PaperSlipResource::class))]
        public array $slips,
        #[OA\Property(description: 'Sign-offs that were asked for, by what they are about.', items: new OA\Items(type: 'string'))]
        public array $signOffs,
    ) {
    }
}
