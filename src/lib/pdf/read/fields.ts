import {
  PDFBool,
  PDFButton,
  PDFCheckBox,
  PDFDict,
  PDFDropdown,
  PDFName,
  PDFOptionList,
  PDFRadioGroup,
  PDFSignature,
  PDFTextField,
  StandardFonts,
  type PDFDocument,
  type PDFField,
  type PDFFont,
} from '@cantoo/pdf-lib';

const ACRO_FORM = PDFName.of('AcroForm');
const NEEDS = PDFName.of('NeedAppearances');
const AP = PDFName.of('AP');

/**
 * Gives form fields the appearance that their values ask for, where they have none, or the form says that theirs are not to
 * be used (ISO 32000-1, 12.7.2, NeedAppearances); true if any got one.
 */
export async function completeFields(document: PDFDocument): Promise<boolean> {
  const dict = document.catalog.lookup(ACRO_FORM);
  if (!(dict instanceof PDFDict)) return false;
  const all = dict.lookup(NEEDS) === PDFBool.True;
  let font: PDFFont | undefined;
  let made = false;
  for (const field of fieldsOf(document)) {
    if (field instanceof PDFSignature || !(all || isBare(field))) continue;
    font ??= await document.embedFont(StandardFonts.Helvetica);
    made = draw(field, font) || made;
  }
  if (made) dict.delete(NEEDS);
  return made;
}

function fieldsOf(document: PDFDocument): PDFField[] {
  try {
    return document.getForm().getFields();
  } catch {
    // A form that is not put together as forms are: viewers show what appearances there are.
    return [];
  }
}

const isBare = (field: PDFField): boolean =>
  field.acroField.getWidgets().some(({ dict }) => !(dict.lookup(AP) instanceof PDFDict));

/** False if the field's value cannot be drawn, as with letters that the font has not. */
function draw(field: PDFField, font: PDFFont): boolean {
  try {
    if (field instanceof PDFCheckBox || field instanceof PDFRadioGroup) {
      // Theirs say which states they have: one that is there stays.
      if (!isBare(field)) return false;
      field.defaultUpdateAppearances();
    } else if (
      field instanceof PDFTextField ||
      field instanceof PDFDropdown ||
      field instanceof PDFOptionList ||
      field instanceof PDFButton
    )
      field.defaultUpdateAppearances(font);
    else return false;
    return true;
  } catch {
    return false;
  }
}
