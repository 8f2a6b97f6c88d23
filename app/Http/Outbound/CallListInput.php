<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class CallListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'status' => 'sometimes|in:waiting,succeeded,failed', 'endpoint' => 'sometimes|string|max:60',
            'limit' => 'sometimes|integer|min:1|max:200',
        ];
    }

    public function meant(): array
    {
        return [
            'status' => 'waiting, succeeded or failed.',
            'endpoint' => 'Of one endpoint, by its name.',
            'limit' => 'How many.',
        ];
    }
}
