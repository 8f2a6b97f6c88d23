<?php

declare(strict_types=1);

namespace App\Http\Lists;

use Illuminate\Foundation\Http\FormRequest;

final class RecordListInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'search' => 'nullable|string|max:200', 'filter' => 'nullable|json|max:20000', 'sort' => 'nullable|string|max:300',
            'page' => 'nullable|integer|min:1|max:100000', 'perPage' => 'nullable|integer|min:1|max:200', 'total' => 'nullable|in:yes,no',
            'columns' => 'nullable|string|max:2000', 'by' => 'nullable|string|max:120', 'sums' => 'nullable|string|max:300',
        ];
    }
}
