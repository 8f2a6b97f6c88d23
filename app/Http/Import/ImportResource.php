<?php

declare(strict_types=1);

namespace App\Http\Import;

use App\Http\Lists\BulkReasonResource;
use App\Http\Lists\BulkResource;
use App\Http\Lists\BulkRuleResource;
use OpenApi\Attributes as OA;

/** A file on its way to become records. */
#[OA\Schema]
final readonly class ImportResource
{
    /**
     * @param  list<ImportColumnResource>  $columns
     * @param  list<ImportProblemResource>  $problems
     * @param  list<BulkRuleResource>  $rules
     * @param  list<BulkReasonResource>  $refusals
     * @param  list<ImportGroupResource>  $groups
     * @param  list<ImportValueResource>  $values
     */
    public function __construct(
        #[OA\Property]
        public BulkResource $job,
        #[OA\Property]
        public string $name,
        #[OA\Property(description: 'In which it is written; it is read as UTF-8.')]
        public string $encoding,
        #[OA\Property(description: 'What parts its cells.')]
        public string $delimiter,
        #[OA\Property(items: new OA\Items(type: ImportColumnResource::class))]
        public array $columns,
        #[OA\Property(description: 'The field by which a record is known that is there already.', nullable: true)]
        public ?string $key,
        #[OA\Property(enum: ['create', 'update', 'both'])]
        public string $mode,
        #[OA\Property(description: 'How many rows would make a record.')]
        public int $create,
        #[OA\Property(description: 'How many would change one.')]
        public int $update,
        #[OA\Property(description: 'How many say what is so already.')]
        public int $same,
        #[OA\Property(description: 'What is wrong; the first two hundred.', items: new OA\Items(type: ImportProblemResource::class))]
        public array $problems,
        #[OA\Property(description: 'On how many rows the rules were tried.')]
        public int $tried,
        #[OA\Property(description: 'The rules that would answer those, and how often.', items: new OA\Items(type: BulkRuleResource::class))]
        public array $rules,
        #[OA\Property(description: 'What rules would refuse of those.', items: new OA\Items(type: BulkReasonResource::class))]
        public array $refusals,
        #[OA\Property(description: 'Why it could not go on; empty where it could.')]
        public string $stoppedBecause,
        #[
            OA\Property(
                description: 'What is wrong, once for all rows alike; the most frequent first, sixty at most.',
                items: new OA\Items(type: ImportGroupResource::class),
            ),
        ]
        public array $groups,
        #[OA\Property(description: 'What is read instead of what stands in cells.', items: new OA\Items(type: ImportValueResource::class))]
        public array $values,
    ) {
    }
}
