<?php

declare(strict_types=1);

namespace App\Http\Rules;

use App\Http\Describe\SaysWhatIsAsked;
use Illuminate\Foundation\Http\FormRequest;

final class VersionInput extends FormRequest implements SaysWhatIsAsked
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['version' => 'required|integer'];
    }

    public function meant(): array
    {
        return [
            'version' => 'Of the record as the person saw it.',
        ];
    }
}
