<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Describe\SaysObjects;
use App\Http\Ledger\VerdictShape;
use App\Http\Records\RecordShape;
use App\Http\Today\TallyShape;
use OpenApi\Attributes as OA;

/** The life of a rule on one record, played on paper. */
#[OA\Schema]
final readonly class RehearsalShape implements \JsonSerializable
{
    use SaysObjects;

    /**
     * @param  array<array-key, mixed>  $opening
     * @param  list<string>  $whatIfs
     * @param  list<PaperEntryShape>  $entries
     * @param  list<PaperLineShape>  $struck
     * @param  list<PaperLineShape>  $left
     * @param  list<PaperSlipShape>  $slips
     * @param  list<string>  $signOffs
     */
    public function __construct(
        #[OA\Property]
        public RecordShape $record,
        #[OA\Property(enum: ['chosen', 'matched', 'nearly', 'made_up'])]
        public string $pick,
        #[OA\Property(type: 'object', additionalProperties: true)]
        public array $opening,
        #[OA\Property]
        public string $openingSaid,
        #[OA\Property(items: new OA\Items(type: 'string'))]
        public array $whatIfs,
        #[OA\Property(items: new OA\Items(type: PaperEntryShape::class))]
        public array $entries,
        #[OA\Property(items: new OA\Items(type: PaperLineShape::class))]
        public array $struck,
        #[OA\Property(items: new OA\Items(type: PaperLineShape::class))]
        public array $left,
        #[OA\Property]
        public TallyShape $tally,
        #[OA\Property]
        public ?TallyShape $without,
        #[OA\Property]
        public ?VerdictShape $why,
        #[OA\Property(format: 'date-time')]
        public string $from,
        #[OA\Property(format: 'date-time')]
        public string $until,
        #[OA\Property(description: 'Whether more would come than is shown.')]
        public bool $goesOn,
        #[OA\Property(description: 'Slips that were sent.', items: new OA\Items(type: PaperSlipShape::class))]
        public array $slips,
        #[OA\Property(description: 'Sign-offs that were asked for, by what they are about.', items: new OA\Items(type: 'string'))]
        public array $signOffs,
    ) {
    }
}
