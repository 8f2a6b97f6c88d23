<?php

declare(strict_types=1);

namespace App\Http\Timing;

use Illuminate\Foundation\Http\FormRequest;

final class HandRunInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['recordType' => 'required|string', 'records' => 'required|array|list', 'records.*' => 'integer|min:1'];
    }
}
