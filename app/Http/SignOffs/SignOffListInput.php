<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use VividLedger\SignOff\SignOffStatus;

final class SignOffListInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'box' => 'nullable|in:waiting,asked,decided,all', 'limit' => 'nullable|integer|min:1|max:500',
            'after' => 'nullable|integer|min:1', 'search' => 'nullable|string|max:200',
            'status' => ['nullable', Rule::enum(SignOffStatus::class)], 'type' => 'nullable|string|max:40',
            'rule' => 'nullable|integer|min:1', 'person' => 'nullable|integer|min:1',
        ];
    }

    public function meant(): array
    {
        return [
            'box' => 'Left out, what waits for oneself.',
            'limit' => 'At most so many, up to 500.',
            'after' => 'Those that come behind this one, to go on with a list.',
            'search' => 'Words of the record or of the rule, or the number of the record.',
            'status' => 'How they stand.',
            'type' => 'The record type.',
            'rule' => 'The rule that asked.',
            'person' => 'Somebody who was asked, by id.',
        ];
    }
}
