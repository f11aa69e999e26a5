-- A picture that is taken in stays as it is; what is read and written is the PDF made of it.
alter table source add column pdf_blob_id bigint references blob;
