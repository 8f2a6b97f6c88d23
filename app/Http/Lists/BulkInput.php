<?php

declare(strict_types=1);

namespace App\Http\Lists;

use App\Store\Lists\BulkStore;
use Illuminate\Foundation\Http\FormRequest;

final class BulkInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'recordType' => 'required|string', 'records' => 'nullable|array|list|max:'.BulkStore::MOST, 'records.*' => 'integer|min:1',
            'filter' => 'nullable|json|max:20000', 'search' => 'nullable|string|max:200', 'values' => 'required|array',
        ];
    }
}
