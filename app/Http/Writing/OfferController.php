<?php

declare(strict_types=1);

namespace App\Http\Writing;

use App\Http\Describe\Controller;
use App\Http\Describe\Ok;
use App\Store\Access\AccessScope;
use App\Store\Setup\Company;
use OpenApi\Attributes as OA;
use VividLedger\Condition\ConditionReader;
use VividLedger\House\Directory;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Asked;
use VividLedger\Shape\Context;
use VividLedger\Shape\EditorSort;
use VividLedger\Shape\Node;
use VividLedger\Shape\ReadingResult;

/** What a word of a rule, or of a list's filter, can become. */
final class OfferController extends Controller
{
    #[
        OA\Post(
            path: '/api/offers',
            operationId: 'offers',
            description: 'What the editor of one word offers. The word is named by its place in the file (a JSON Pointer) and the sort '
                .'of its editor. A filter is given as {filter} with its record type.',
            tags: ['rules'],
            responses: [new Ok(ChoicesResource::class)],
        ),
    ]
    public function index(
        OfferInput $request,
        RuleReader $reader,
        AccessScope $inSight,
        Directory $directory,
        Company $company,
    ): ChoicesResource {
        $given = $request->validated();
        $asked = new Asked($given['at'], EditorSort::from($given['by']));
        if (isset($given['on'])) {
            $sheet = new ReadingResult($asked, isOfChange: false);
            $context = new Context(
                $inSight->schema(), $directory, $inSight->sight()->type($this->type($given['on'])), $company->zone(), $sheet,
            );
            ConditionReader::read($context, new Node($given['file']['filter'] ?? null, '/filter'));

            return EditorResources::choices($sheet->offers, $sheet->ways);
        }
        $page = $reader->read($given['file'], asked: $asked);

        return EditorResources::choices($page->offers, $page->ways);
    }
}
