-- Roles of least privilege for one Even Coil database. Run once as the superuser, in the new
-- database, with passwords of your own:
--   psql -d evencoil -v owner="'...'" -v app="'...'" -v backup="'...'" -f deploy/roles.sql
-- The owner changes tables (migrations only). The application reads and writes rows, and changes
-- no table. The backup role reads.
CREATE ROLE evencoil_owner LOGIN PASSWORD :owner;
CREATE ROLE evencoil_app LOGIN PASSWORD :app;
CREATE ROLE evencoil_backup LOGIN PASSWORD :backup;
REVOKE CREATE ON SCHEMA public FROM PUBLIC;
GRANT USAGE, CREATE ON SCHEMA public TO evencoil_owner;
GRANT USAGE ON SCHEMA public TO evencoil_app, evencoil_backup;
ALTER DEFAULT PRIVILEGES FOR ROLE evencoil_owner IN SCHEMA public
  GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO evencoil_app;
ALTER DEFAULT PRIVILEGES FOR ROLE evencoil_owner IN SCHEMA public
  GRANT USAGE, SELECT ON SEQUENCES TO evencoil_app;
GRANT pg_read_all_data TO evencoil_backup;
-- a question that runs away is ended; migrations are the owner's and may take their time
ALTER ROLE evencoil_app SET statement_timeout = '60s';
ALTER ROLE evencoil_app SET idle_in_transaction_session_timeout = '60s';
