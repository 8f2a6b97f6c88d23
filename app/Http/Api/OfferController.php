<?php

declare(strict_types=1);

namespace App\Http\Api;

use App\Http\Api\Describe\Body;
use App\Http\Api\Describe\Ok;
use App\Http\Api\Shape\OfferedShape;
use App\Http\Input\OfferInput;
use App\Store\Company;
use App\Store\SchemaStore;
use Illuminate\Http\JsonResponse;
use OpenApi\Attributes as OA;
use VividLedger\Condition\ConditionReader;
use VividLedger\House\Directory;
use VividLedger\Rule\Reading\RuleReader;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Sheet;

/** What a word of a rule, or of a list's filter, can become. */
final class OfferController extends Controller
{
    #[
        OA\Post(
            path: '/api/offers',
            operationId: 'offers',
            description: 'The choices for one word, named by its place in the file (a JSON Pointer). A filter is given as {filter} with '
                .'its record type.',
            tags: ['rules'],
            requestBody: new Body(['file' => 'object', 'at' => 'string', 'on?' => 'string']),
            responses: [new Ok(OfferedShape::class, list: true)],
        ),
    ]
    public function index(
        OfferInput $request,
        RuleReader $reader,
        SchemaStore $schemas,
        Directory $directory,
        Company $company,
    ): JsonResponse {
        $given = $request->validated();
        if (isset($given['on'])) {
            $sheet = new Sheet($given['at']);
            ConditionReader::read(
                new Context($schemas->schema(), $directory, $this->type($given['on']), $company->zone(), $sheet),
                new Node($given['file']['filter'] ?? null, '/filter'),
            );
            $offers = $sheet->offers;
        } else {
            $offers = $reader->read($given['file'], asked: $given['at'])->offers;
        }

        return new JsonResponse(array_map(
            static fn (Offer $offer): OfferedShape => new OfferedShape(
                $offer->label,
                $offer->value,
                $offer->group,
                $offer->hint,
                $offer->merge,
            ),
            $offers,
        ));
    }
}
